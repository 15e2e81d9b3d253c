export { count, odds, percent, several } from '@kauri/core';
