// Prepares the school of the interface tests while others are still running.
import { prepareSchool } from './prepareSchool.ts'

await prepareSchool(process.argv[2]!)
