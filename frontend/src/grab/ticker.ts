// Runs beside the window: a tab that is not seen is given a tick of its own only once a second.
self.onmessage = ({ data }: MessageEvent<number>) => {
  setInterval(() => self.postMessage(null), data);
};
