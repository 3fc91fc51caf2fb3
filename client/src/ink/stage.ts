import type { InkChange } from '@nibquill/core/ink/changes'
import type { At, InkSheet } from '@nibquill/core/ink/document'
import { UNITS_PER_MM } from '@nibquill/core/ink/document'
import type { Sample } from '@nibquill/core/ink/hand'
import {
  layUnder,
  onSheetOnly,
  paint,
  PaintedSheet,
  paintFrame,
  wipe,
  type Frame,
  type View,
} from '../sheets/paint'
import type { Pictures } from '../sheets/pictures'
import type { Stroke } from './strokes'

/** What a stage asks and tells. */
export type Hears = {
  /** What a hand that was put down begins; null where it does nothing. @param reach - Of a finger. */
  begin: (first: Sample, reach: number) => Stroke | null
  /** Of what is chosen, as it is now. @param reach - Of a finger, in units. */
  frame: (reach: number) => Frame | null
  /** @returns whether the key meant something where things are arranged */
  onKey: (event: KeyboardEvent) => boolean
  sheet: () => InkSheet
  act: (changes: readonly InkChange[]) => void
  /** What is measured, in words; null when nothing is. */
  wordsFor: (cm: number, degrees: number | null) => string
  /** Said to those who listen. */
  say: (what: 'down' | 'up' | 'dropped' | 'moved', at: At) => void
  onZoom: (times: number) => void
}

/** Wider than a fingertip: the side of a hand that rests. */
const PALM_PX = 60
/** So long after a pen was last put down a finger may draw again. */
const HAND_RESTS_MS = 60_000
const MARGIN_PX = 20
/** Half as wide as a fingertip. */
const FINGER_PX = 24
const MOST_ZOOM = 8
const KEY_STEP = { small: UNITS_PER_MM, normal: 4 * UNITS_PER_MM, large: 20 * UNITS_PER_MM }

/**
 * The sheet under the hand: two canvases, below what is drawn already and above it what is being
 * drawn. All of it outside of React, in the frames of the screen.
 */
export class Stage {
  readonly #below: PaintedSheet
  readonly #above: CanvasRenderingContext2D
  readonly #canvases: readonly HTMLCanvasElement[]
  readonly #hears: Hears
  readonly #pointers = new Map<number, At>()
  readonly #leave = new AbortController()
  #fit: View = { scale: 0.02, x: 0, y: 0 }
  #view: View = this.#fit
  #stroke: { pointerId: number | null; stroke: Stroke } | null = null
  #pinch: { between: number; middle: At; view: View } | null = null
  /** When a pen was on the sheet last: meanwhile hands rest there, and draw nothing. */
  #penMs = -Infinity
  #cursor: At | null = null
  #frame = 0

  constructor(
    below: HTMLCanvasElement,
    above: HTMLCanvasElement,
    hears: Hears,
    pictures: Pictures,
  ) {
    this.#below = new PaintedSheet(below.getContext('2d')!, (mediaId) => pictures.get(mediaId))
    this.#above = above.getContext('2d')!
    this.#canvases = [below, above]
    this.#hears = hears
    const { signal } = this.#leave
    const on = <K extends keyof HTMLElementEventMap>(
      name: K,
      listener: (event: HTMLElementEventMap[K]) => void,
    ) => above.addEventListener(name, listener, { signal, passive: false })
    on('pointerdown', (event) => this.#down(event))
    on('pointermove', (event) => this.#move(event))
    on('pointerup', (event) => this.#up(event))
    // The hand left the window, or the system took the finger: what was drawn so far stays.
    on('pointercancel', (event) => this.#up(event))
    on('wheel', (event) => this.#wheel(event))
    on('keydown', (event) => this.#key(event))
    on('blur', () => this.#liftKeys())
    const resized = new ResizeObserver(() => this.#resize())
    resized.observe(above)
    signal.addEventListener('abort', () => resized.disconnect())
    const stop = pictures.subscribe(() => {
      this.#below.forget()
      this.refresh()
    })
    signal.addEventListener('abort', stop)
    this.#resize()
  }

  /** What stands on the sheet, or what is held, has changed. */
  refresh(): void {
    this.#frame ||= requestAnimationFrame(() => this.#paint())
  }

  /** What the keyboard's pen began is left, and it goes away: another place, other keys. */
  leaveKeys(): void {
    this.#liftKeys()
    this.#cursor = null
    this.refresh()
  }

  close(): void {
    cancelAnimationFrame(this.#frame)
    this.#leave.abort()
  }

  /** @param times - 0: as large as the place allows. */
  zoom(times: number): void {
    const { width, height } = this.#above.canvas.getBoundingClientRect()
    const middle = { x: width / 2, y: height / 2 }
    if (times === 0) this.#setView(this.#fit)
    else this.#zoomTo(this.#view.scale * times, middle, middle, this.#view)
  }

  #resize(): void {
    const { width, height } = this.#above.canvas.getBoundingClientRect()
    if (width === 0 || height === 0) return
    const dots = window.devicePixelRatio || 1
    for (const canvas of this.#canvases) {
      canvas.width = Math.round(width * dots)
      canvas.height = Math.round(height * dots)
    }
    this.#below.forget()
    const sheet = this.#hears.sheet()
    const scale = Math.min(
      (width - 2 * MARGIN_PX) / sheet.width,
      (height - 2 * MARGIN_PX) / sheet.height,
    )
    const wasFit = this.#view.scale === this.#fit.scale
    this.#fit = {
      scale,
      x: (width - sheet.width * scale) / 2,
      y: (height - sheet.height * scale) / 2,
    }
    if (wasFit) this.#view = this.#fit
    // At once: an empty canvas would flash.
    this.#paint()
  }

  #paint(): void {
    cancelAnimationFrame(this.#frame)
    this.#frame = 0
    const stroke = this.#stroke?.stroke
    const sheet = this.#hears.sheet()
    this.#below.show(stroke?.sheet() ?? sheet, this.#view)
    wipe(this.#above)
    layUnder(this.#above, this.#view)
    if (stroke) {
      this.#above.save()
      onSheetOnly(this.#above, sheet)
      paint(this.#above, stroke.shown())
      this.#above.restore()
      this.#paintMeasure(stroke)
    }
    layUnder(this.#above, this.#view)
    const reach = FINGER_PX / this.#view.scale
    const frame = stroke ? stroke.frame(reach) : this.#hears.frame(reach)
    if (frame) paintFrame(this.#above, frame, this.#view.scale)
    if (this.#cursor) this.#paintCursor(this.#cursor)
  }

  #paintMeasure(stroke: Stroke): void {
    const measure = stroke.measure()
    if (!measure || measure.cm === 0) return
    const words = this.#hears.wordsFor(measure.cm, measure.degrees)
    const dots = window.devicePixelRatio || 1
    const canvas = this.#above
    const { width } = canvas.canvas.getBoundingClientRect()
    canvas.setTransform(dots, 0, 0, dots, 0, 0)
    canvas.font = '18px Andika, sans-serif'
    const wide = canvas.measureText(words).width + 20
    const x = Math.min(
      Math.max(6, this.#view.x + measure.at.x * this.#view.scale - wide / 2),
      width - wide - 6,
    )
    const y = Math.max(6, this.#view.y + measure.at.y * this.#view.scale - 62)
    canvas.fillStyle = '#FBEBD0'
    canvas.strokeStyle = '#B9741A'
    canvas.lineWidth = 1.5
    canvas.beginPath()
    canvas.roundRect(x, y, wide, 32, 6)
    canvas.fill()
    canvas.stroke()
    canvas.fillStyle = '#2B2118'
    canvas.textBaseline = 'middle'
    canvas.fillText(words, x + 10, y + 17)
  }

  /** A ring where the keyboard's pen is, dark on light and light on dark. */
  #paintCursor({ x, y }: At): void {
    const canvas = this.#above
    const radius = 9 / this.#view.scale
    for (const [colour, width] of [
      ['#FFFFFF', 6],
      ['#54284F', 3],
    ] as const) {
      canvas.strokeStyle = colour
      canvas.lineWidth = width / this.#view.scale
      canvas.beginPath()
      canvas.arc(x, y, radius, 0, 2 * Math.PI)
      canvas.stroke()
    }
  }

  #placeOf({ clientX, clientY }: { clientX: number; clientY: number }): At {
    const { left, top } = this.#above.canvas.getBoundingClientRect()
    return { x: clientX - left, y: clientY - top }
  }

  #sampleOf(event: PointerEvent): Sample {
    const { x, y } = this.#placeOf(event)
    const feels = event.pointerType === 'pen' && event.pressure > 0
    return {
      x: (x - this.#view.x) / this.#view.scale,
      y: (y - this.#view.y) / this.#view.scale,
      timeMs: event.timeStamp,
      pressure: feels ? event.pressure : null,
    }
  }

  #down(event: PointerEvent): void {
    event.preventDefault()
    this.#above.canvas.focus({ preventScroll: true })
    if (event.pointerType === 'pen') this.#penMs = event.timeStamp
    const palm = event.pointerType === 'touch' && Math.max(event.width, event.height) > PALM_PX
    if (palm || event.button > 0) return
    this.#above.canvas.setPointerCapture(event.pointerId)
    this.#cursor = null
    if (event.pointerType !== 'pen') this.#pointers.set(event.pointerId, this.#placeOf(event))
    if (this.#pointers.size >= 2) return this.#beginPinch()
    const rests = event.pointerType === 'touch' && event.timeStamp - this.#penMs < HAND_RESTS_MS
    if (this.#stroke || rests) return
    const stroke = this.#hears.begin(this.#sampleOf(event), FINGER_PX / this.#view.scale)
    this.#stroke = stroke && { pointerId: event.pointerId, stroke }
    this.refresh()
  }

  #move(event: PointerEvent): void {
    if (this.#pointers.has(event.pointerId))
      this.#pointers.set(event.pointerId, this.#placeOf(event))
    if (this.#pinch) return this.#movePinch()
    if (this.#stroke?.pointerId !== event.pointerId) return
    const coalesced = event.getCoalescedEvents?.() ?? []
    for (const one of coalesced.length > 0 ? coalesced : [event])
      this.#stroke.stroke.move(this.#sampleOf(one))
    this.refresh()
  }

  #up(event: PointerEvent): void {
    if (event.pointerType === 'pen') this.#penMs = event.timeStamp
    this.#pointers.delete(event.pointerId)
    if (this.#pointers.size < 2) this.#pinch = null
    if (this.#stroke?.pointerId === event.pointerId) this.#lift()
  }

  #lift(): void {
    const stroke = this.#stroke?.stroke
    this.#stroke = null
    // Shown below before it goes above: no line ever blinks.
    if (stroke) this.#hears.act(stroke.lift())
    this.#paint()
  }

  /** A second finger came: what the first began was not meant. */
  #beginPinch(): void {
    if (this.#stroke) this.#hears.say('dropped', { x: 0, y: 0 })
    this.#stroke = null
    const [a, b] = [...this.#pointers.values()] as [At, At]
    this.#pinch = { ...betweenAndMiddle(a, b), view: this.#view }
    this.refresh()
  }

  #movePinch(): void {
    const { between, middle, view } = this.#pinch!
    const [a, b] = [...this.#pointers.values()] as [At, At]
    const now = betweenAndMiddle(a, b)
    this.#zoomTo(view.scale * (now.between / Math.max(1, between)), middle, now.middle, view)
  }

  /** What lay under one place of the canvas comes to lie under another, at that scale. */
  #zoomTo(wanted: number, from: At, to: At, view: View): void {
    const scale = Math.min(Math.max(wanted, this.#fit.scale), this.#fit.scale * MOST_ZOOM)
    const times = scale / view.scale
    const { width, height } = this.#above.canvas.getBoundingClientRect()
    const sheet = this.#hears.sheet()
    // Some of the sheet is always in sight.
    const held = (at: number, size: number, room: number, fit: number) =>
      scale === this.#fit.scale
        ? fit
        : Math.min(Math.max(at, Math.min(fit, room - MARGIN_PX - size)), Math.max(fit, MARGIN_PX))
    this.#setView({
      scale,
      x: held(to.x - (from.x - view.x) * times, sheet.width * scale, width, this.#fit.x),
      y: held(to.y - (from.y - view.y) * times, sheet.height * scale, height, this.#fit.y),
    })
  }

  #setView(view: View): void {
    this.#view = view
    this.#hears.onZoom(view.scale / this.#fit.scale)
    this.refresh()
  }

  #wheel(event: WheelEvent): void {
    event.preventDefault()
    const at = this.#placeOf(event)
    if (event.ctrlKey || event.metaKey)
      this.#zoomTo(this.#view.scale * Math.exp(-event.deltaY / 300), at, at, this.#view)
    else
      this.#zoomTo(
        this.#view.scale,
        at,
        { x: at.x - event.deltaX, y: at.y - event.deltaY },
        this.#view,
      )
  }

  /** Arrows move the keyboard's pen, space puts it down and lifts it, Escape drops the line. */
  #key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (this.#hears.onKey(event)) {
      event.preventDefault()
      event.stopPropagation()
      return
    }
    const way = {
      ...{ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] },
    }[event.key]
    const sheet = this.#hears.sheet()
    const at = this.#cursor ?? { x: sheet.width / 2, y: sheet.height / 2 }
    if (way) {
      const step = event.shiftKey ? KEY_STEP.large : KEY_STEP.normal
      this.#moveKeys(
        {
          x: Math.min(Math.max(0, at.x + way[0]! * step), sheet.width),
          y: Math.min(Math.max(0, at.y + way[1]! * step), sheet.height),
        },
        event.timeStamp,
      )
    } else if (event.key === ' ' || event.key === 'Enter') {
      if (event.repeat) return
      this.#cursor = at
      if (this.#stroke) this.#liftKeys()
      else {
        const stroke = this.#hears.begin({ ...at, timeMs: event.timeStamp, pressure: null }, 0)
        this.#stroke = stroke && { pointerId: null, stroke }
        this.#hears.say('down', at)
      }
    } else if (event.key === 'Escape' && this.#stroke) {
      this.#stroke = null
      this.#hears.say('dropped', at)
    } else if (event.key === '+' || event.key === '=') this.zoom(1.3)
    else if (event.key === '-') this.zoom(1 / 1.3)
    else if (event.key === '0') this.zoom(0)
    else return
    event.preventDefault()
    event.stopPropagation()
    this.refresh()
  }

  #moveKeys(to: At, timeMs: number): void {
    this.#cursor = to
    this.#stroke?.stroke.move({ ...to, timeMs, pressure: null })
    this.#hears.say('moved', to)
  }

  /** What the keyboard began is not left in the air. */
  #liftKeys(): void {
    if (this.#stroke?.pointerId !== null) return
    this.#lift()
    if (this.#cursor) this.#hears.say('up', this.#cursor)
  }
}

const betweenAndMiddle = (a: At, b: At): { between: number; middle: At } => ({
  between: Math.hypot(a.x - b.x, a.y - b.y),
  middle: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 },
})
