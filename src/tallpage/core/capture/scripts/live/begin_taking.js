/* From now on what is done to the page for its picture is noted. */
() => window[Symbol.for("capture")].beginTaking()
