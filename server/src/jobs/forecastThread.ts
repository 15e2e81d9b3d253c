import { parentPort, workerData } from 'node:worker_threads';
import { actsOfLots, type ForecastWork } from './forecastWork';

/* A worker thread that forecasts the lots it is given and ends. */
parentPort!.postMessage(actsOfLots(workerData as ForecastWork));
