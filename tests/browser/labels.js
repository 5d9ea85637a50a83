// What is wrong with the words in drawings as they stand on the screen: too small, cut off by their drawing, or on one another.
() => {
  const LEAST_PX = 12.9; // 13, less what a rounding takes
  const found = [];
  for (const svg of document.querySelectorAll("main svg")) {
    const frame = svg.getBoundingClientRect();
    const words = [...svg.querySelectorAll("text")].filter((one) => one.textContent.trim() && one.getBoundingClientRect().width);
    for (const one of words) {
      const to = one.getScreenCTM();
      const px = parseFloat(getComputedStyle(one).fontSize) * Math.hypot(to.a, to.b);
      const box = one.getBoundingClientRect();
      const says = one.textContent.slice(0, 24);
      if (px < LEAST_PX) found.push(`${px.toFixed(1)} px: ${says}`);
      const outside =
        box.left < frame.left - 1 || box.right > frame.right + 1 || box.top < frame.top - 2 || box.bottom > frame.bottom + 2;
      if (outside && getComputedStyle(svg).overflow !== "visible") found.push(`cut off: ${says}`);
    }
    words.forEach((one, i) => {
      const a = one.getBoundingClientRect();
      for (const other of words.slice(i + 1)) {
        const b = other.getBoundingClientRect();
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
        if (across > 2 && down > 4) found.push(`on one another: ${one.textContent.slice(0, 24)}, ${other.textContent.slice(0, 24)}`);
      }
    });
  }
  return found;
};
