import { TRAY_GROUPINGS, type TrayGrouping } from '@nibquill/core/review/groupTray'
import { TRAY_ORDERS, type TrayOrder } from '@nibquill/core/review/trayOrder'
import { router, useLocalSearchParams } from 'expo-router'

/** How the tray is looked at; without a class it is all of a teacher's classes. */
export type TrayView = { by: TrayGrouping; order: TrayOrder; classId: string | undefined }

/** The view stands in the address: it can be kept as a bookmark, and Back finds it again. */
export function useTrayView() {
  const asked = useLocalSearchParams<{ id?: string; by?: string; order?: string; class?: string }>()
  const view: TrayView = {
    by: TRAY_GROUPINGS.find((one) => one === asked.by) ?? 'task',
    order: TRAY_ORDERS.find((one) => one === asked.order) ?? 'oldest',
    classId: asked.class || undefined,
  }
  /** @param pieceId - Null for the list alone. */
  const go = (pieceId: string | null, more: { end?: '1' } = {}, to: TrayView = view) => {
    const params = { ...wordsOf(to), ...more }
    if (pieceId) router.replace({ pathname: '/tray/[id]', params: { id: pieceId, ...params } })
    else router.replace({ pathname: '/tray', params })
  }
  return {
    view,
    go,
    /** A group of it, side by side. */
    goTogether: (groupId: string | null) =>
      router.push({
        pathname: '/tray/together',
        params: { ...wordsOf(view), group: groupId ?? '' },
      }),
    /** What lies on the desk stays there, unless it may be of another class. */
    change: (more: Partial<TrayView>) =>
      go('classId' in more ? null : (asked.id ?? null), {}, { ...view, ...more }),
  }
}

/** What goes without saying is not said. */
const wordsOf = ({ by, order, classId }: TrayView): Record<string, string> => ({
  ...(by === 'task' ? {} : { by }),
  ...(order === 'oldest' ? {} : { order }),
  ...(classId ? { class: classId } : {}),
})
