package zander.desk.work;

/**
 * A failure in words for the person.
 *
 * @param headline what failed, in one line
 * @param detail in which state things are now, and what to do
 */
public record Message(String headline, String detail) {}
