/* Undoes what was done to the page for its picture. */
() => window[Symbol.for("capture")].endTaking()
