import type { Page } from '@playwright/test'

/** What is asked of a screen at a size. */
export interface Asked {
  /** Whether nothing but lists may scroll. */
  readonly fits: boolean
  readonly touch: boolean
}

/** What is wrong with the screen in sight, by the boxes of its elements; nothing where all is well. */
export const wrongIn = (page: Page, asked: Asked): Promise<readonly string[]> =>
  page.evaluate(({ fits, touch }) => {
    const wrong: string[] = []
    const [w, h] = [window.innerWidth, window.innerHeight]
    const root = document.documentElement
    if (root.scrollWidth > w + 1) wrong.push(`the page is ${root.scrollWidth} px wide`)
    if (root.scrollHeight > h + 1) wrong.push(`the page is ${root.scrollHeight} px high`)
    const main = document.querySelector('main')
    if (fits && main && main.scrollHeight > main.clientHeight + 1)
      wrong.push(`the view scrolls: ${main.scrollHeight} px in ${main.clientHeight}`)
    const count = document.querySelectorAll('*').length
    if (count > 2500) wrong.push(`${count} elements`)

    interface Box {
      readonly left: number
      readonly top: number
      readonly right: number
      readonly bottom: number
    }
    const name = (e: Element): string =>
      `${e.tagName.toLowerCase()} “${(e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 28)}”`
    const isClippedAway = (e: Element | null): boolean =>
      e !== null && (getComputedStyle(e).clipPath !== 'none' || isClippedAway(e.parentElement))
    const isSeen = (e: Element): boolean =>
      e.checkVisibility({ checkOpacity: true, visibilityProperty: true }) &&
      e.closest('[inert], .paper') === null &&
      !isClippedAway(e)
    const scrolls = (style: CSSStyleDeclaration): boolean => /auto|scroll/.test(`${style.overflowX} ${style.overflowY}`)
    const clips = (style: CSSStyleDeclaration): boolean =>
      style.overflowX !== 'visible' || style.overflowY !== 'visible'
    /** The part of an element that is in sight, and whether something that does not scroll cuts it. */
    const inSight = (e: Element): { readonly box: Box | null; readonly cut: boolean; readonly far: boolean } => {
      const r = e.getBoundingClientRect()
      let box: Box = { left: r.left, top: r.top, right: r.right, bottom: r.bottom }
      let [cut, far] = [false, false]
      for (let up = e.parentElement; up; up = up.parentElement) {
        const style = getComputedStyle(up)
        if (getComputedStyle(e).position === 'fixed') break
        if (!clips(style)) continue
        const c = up.getBoundingClientRect()
        const inner = {
          left: Math.max(box.left, c.left),
          top: Math.max(box.top, c.top),
          right: Math.min(box.right, c.right),
          bottom: Math.min(box.bottom, c.bottom),
        }
        const lost =
          inner.left > box.left + 1.5 ||
          inner.top > box.top + 1.5 ||
          inner.right < box.right - 1.5 ||
          inner.bottom < box.bottom - 1.5
        if (lost && scrolls(style)) far = true
        else if (lost && !far) cut = true
        box = inner
      }
      if (!far && (box.left < -1 || box.top < -1 || box.right > w + 1 || box.bottom > h + 1)) cut = true
      return { box: box.right - box.left > 1 && box.bottom - box.top > 1 ? box : null, cut, far }
    }
    const controls = [
      ...document.querySelectorAll(
        'button, a[href], input, select, textarea, summary, [role="button"], [role="slider"]',
      ),
    ].filter((e) => !(e instanceof SVGElement) && isSeen(e))
    const boxes = controls.flatMap((e) => {
      const { box, cut } = inSight(e)
      if (cut) wrong.push(`${name(e)} is cut`)
      const r = e.getBoundingClientRect()
      const around =
        e instanceof HTMLInputElement && /checkbox|radio/.test(e.type)
          ? (e.closest('label')?.getBoundingClientRect() ?? r)
          : r
      if (touch && (around.height < 43.5 || around.width < 43.5))
        wrong.push(`${name(e)} is ${Math.round(around.width)} × ${Math.round(around.height)} px`)
      return box ? [{ e, box }] : []
    })
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1)) {
        if (a.e.contains(b.e) || b.e.contains(a.e)) continue
        const across = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left)
        const down = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top)
        if (across > 1.5 && down > 1.5) wrong.push(`${name(a.e)} and ${name(b.e)} overlap`)
      }
    for (const e of document.querySelectorAll('h1, h2, h3, p, dt, dd, li, td, th, label, span, strong, small')) {
      if (!isSeen(e) || e.closest('svg')) continue
      const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim())
      if (!own) continue
      const style = getComputedStyle(e)
      if (style.position === 'absolute' && e.clientWidth <= 1) continue
      if (inSight(e).cut) wrong.push(`${name(e)} is cut`)
      if (
        style.overflowX !== 'visible' &&
        style.textOverflow !== 'ellipsis' &&
        !scrolls(style) &&
        e.scrollWidth > e.clientWidth + 1
      )
        wrong.push(`${name(e)} does not fit`)
    }
    for (const e of document.querySelectorAll('svg text')) {
      if (!isSeen(e)) continue
      const { cut, box } = inSight(e)
      if (cut && box) wrong.push(`text “${e.textContent}” is cut`)
    }
    const rail = document.querySelector('footer nav')?.getBoundingClientRect()
    if (!rail || rail.bottom > h + 1 || rail.top < 0 || rail.height < 30) wrong.push('the rail is not in sight')
    return [...new Set(wrong)]
  }, asked)
