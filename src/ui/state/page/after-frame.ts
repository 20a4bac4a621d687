/** Does what can wait until what a key changed is on the screen; at once where nothing is drawn. */
export const afterFrame = (act: () => void): void => {
  if (document.hidden) act()
  else requestAnimationFrame(() => setTimeout(act))
}
