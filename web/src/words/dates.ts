export { dateWords, longDate, months, monthWords, shortDate, yearOf } from '@kauri/core';
