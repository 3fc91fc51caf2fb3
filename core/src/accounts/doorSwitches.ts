/**
 * `hours`: open by itself in school hours; `open` and `shut`: by the teacher's hand, for the rest
 * of that school day.
 */
export const DOOR_SWITCHES = ['hours', 'open', 'shut'] as const
export type DoorSwitch = (typeof DOOR_SWITCHES)[number]
