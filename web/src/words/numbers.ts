export { count, odds, percent, several, surely } from '@kauri/core';
