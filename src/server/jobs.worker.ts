/** The entry of a worker thread of the pool. */
export { doJob as default } from './jobs';
