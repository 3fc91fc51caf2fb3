export { SetClock, systemClock, type Clock } from './platform/clock.ts'
export { dataFolderOf, readConfig, type Config } from './platform/config.ts'
export { openNibquill, startServer, type OpenNibquill, type RunningServer } from './server.ts'
