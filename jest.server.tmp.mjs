import c from './jest.config.mjs'
export default c.projects[2]
