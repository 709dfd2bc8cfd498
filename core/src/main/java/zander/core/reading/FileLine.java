package zander.core.reading;

/**
 * A line of a file, or a part of one that is very long.
 *
 * @param from where it begins in the file, in bytes
 * @param end where the next one begins
 * @param text without its line end, as it can be shown: controls stand as marks
 * @param goesOn whether the line goes on in the next part
 */
public record FileLine(long from, long end, String text, boolean goesOn) {}
