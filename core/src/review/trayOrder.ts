/** What of the tray comes first: what was handed in first, or what is due first. */
export const TRAY_ORDERS = ['oldest', 'due'] as const
export type TrayOrder = (typeof TRAY_ORDERS)[number]
