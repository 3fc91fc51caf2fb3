/**
 * The network an address belongs to, as a school's own: what its devices have in common as seen
 * from the server.
 * A public IPv4 address is the school's whole network (RFC 3022, address translation); private IPv4
 * ranges (RFC 1918) count as one;
 * of IPv6 the first 64 bits name the network (RFC 4291, section 2.5.4).
 * @param address - As a socket gives it; IPv4 may come wrapped as `::ffff:192.0.2.1`.
 */
export function networkOf(address: string): string {
  const four = /^(?:::ffff:)?(\d+)\.(\d+)\.(\d+)\.(\d+)$/i.exec(address)
  if (four) {
    const [a, b] = [Number(four[1]), Number(four[2])]
    if (a === 10) return '10.0.0.0/8'
    if (a === 127) return '127.0.0.0/8'
    if (a === 172 && b >= 16 && b < 32) return '172.16.0.0/12'
    if (a === 192 && b === 168) return '192.168.0.0/16'
    return `${four.slice(1).join('.')}/32`
  }
  if (address === '::1') return '127.0.0.0/8'
  return `${groupsOf(address).slice(0, 4).join(':')}::/64`
}

/** The eight groups of an IPv6 address, `::` filled up. */
function groupsOf(address: string): string[] {
  const [head = '', tail] = address.toLowerCase().split('%')[0]!.split('::')
  const before = head ? head.split(':') : []
  const after = tail ? tail.split(':') : []
  const gap = tail === undefined ? 0 : Math.max(0, 8 - before.length - after.length)
  return [...before, ...Array<string>(gap).fill('0'), ...after].map((group) =>
    group.replace(/^0+(?=.)/, ''),
  )
}
