/** A field that opens where something was pressed has the focus at once: `ref={focused}`. */
export const focused = (element: HTMLElement | null): void => element?.focus();
