export { DEMO_CARDS, DEMO_PASSWORD, DEMO_STAFF, loadDemo, type DemoSignIns } from './loadDemo.ts'
export { photograph } from './photograph.ts'
export { Chance } from './chance.ts'
