/** Shows a text in an element; what shows it already is left alone, and so need not be laid out again. */
export function showText(element: HTMLElement, text: string): void {
  if (element.textContent !== text) element.textContent = text;
}
