export { dateWords, longDate, months, shortDate, yearOf } from '@kauri/core';
