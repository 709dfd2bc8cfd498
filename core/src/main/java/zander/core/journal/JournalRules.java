package zander.core.journal;

/**
 * What bounds a journal.
 *
 * @param days entries are kept so long, 1 or more
 * @param bytes the contents kept may take so much, packed; the oldest go first
 */
public record JournalRules(int days, long bytes) {
  public static final JournalRules USUAL = new JournalRules(365, 1L << 30);

  public JournalRules {
    if (days < 1 || bytes < 0) {
      throw new IllegalArgumentException("a journal keeps a day at least");
    }
  }
}
