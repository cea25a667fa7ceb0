/* What some of the passages say that `words` told of, by their numbers. */
(numbers) => numbers.map((number) => window[Symbol.for("capture")].shownTexts[number])
