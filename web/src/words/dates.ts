export { dateWords, longDate, monthName, monthWords, shortDate, yearOf } from '@kauri/core';
