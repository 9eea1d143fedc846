// Colours from the one token file, for canvases.
export const ink = (name) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
