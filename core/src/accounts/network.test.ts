import { networkOf } from './network.ts'

test.each([
  ['203.0.113.7', '203.0.113.7/32'],
  ['::ffff:203.0.113.7', '203.0.113.7/32'],
  ['192.168.4.20', '192.168.0.0/16'],
  ['10.1.2.3', '10.0.0.0/8'],
  ['172.16.0.1', '172.16.0.0/12'],
  ['172.32.0.1', '172.32.0.1/32'],
  ['127.0.0.1', '127.0.0.0/8'],
  ['::1', '127.0.0.0/8'],
  ['2001:db8:1:2::9', '2001:db8:1:2::/64'],
  ['2001:0DB8:0001:0002:3:4:5:6', '2001:db8:1:2::/64'],
  ['2001:db8::5', '2001:db8:0:0::/64'],
  ['fe80::1%eth0', 'fe80:0:0:0::/64'],
])('%s belongs to %s', (address, network) => {
  expect(networkOf(address)).toBe(network)
})

test('two homes are never one network, two devices of a school are', () => {
  expect(networkOf('203.0.113.7')).not.toBe(networkOf('203.0.113.8'))
  expect(networkOf('192.168.1.5')).toBe(networkOf('192.168.9.77'))
  expect(networkOf('2001:db8:1:2::9')).toBe(networkOf('2001:db8:1:2:aaaa::1'))
  expect(networkOf('2001:db8:1:2::9')).not.toBe(networkOf('2001:db8:1:3::9'))
})
