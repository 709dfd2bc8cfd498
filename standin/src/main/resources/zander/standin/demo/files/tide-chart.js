// Draws the level of one station as a line, newest reading on the right.
export function draw(canvas, readings) {
  const pen = canvas.getContext("2d");
  const highest = Math.max(...readings.map((r) => r.level));
  pen.beginPath();
  readings.forEach((reading, i) => {
    const x = (i / (readings.length - 1)) * canvas.width;
    const y = canvas.height - (reading.level / highest) * canvas.height;
    if (i === 0) pen.moveTo(x, y);
    else pen.lineTo(x, y);
  });
  pen.stroke();
}
