/** Gives a box, while it is there, a sheet of small pictures as its background named `--sheet`. */
export const showSheet = (pictures: Blob) => (box: HTMLDivElement | null) => {
  if (!box) return;
  const url = URL.createObjectURL(pictures);
  box.style.setProperty('--sheet', `url(${url})`);
  return () => URL.revokeObjectURL(url);
};
