/* The page hears of the pointer again. */
() => window[Symbol.for("capture")].letGo?.()
