import * as fc from 'fast-check'
import { FAULTS, fault, readFault, type FaultCode } from './faults.ts'

const codes = Object.keys(FAULTS) as FaultCode[]

test('a fault is read as it was written, with its number', () => {
  expect(fault('too-long', 40)).toBe('too-long:40')
  fc.assert(
    fc.property(fc.constantFrom(...codes), fc.nat(), (code, limit) => {
      expect(readFault(fault(code, limit))).toEqual({ code, limit })
      expect(readFault(fault(code))).toEqual({ code, limit: 0 })
    }),
  )
})

test('whatever is no fault of ours is unusable', () => {
  for (const other of ['', 'constructor', 'Invalid type: Expected string but received 7', ':3'])
    expect(readFault(other).code).toBe('unusable')
})
