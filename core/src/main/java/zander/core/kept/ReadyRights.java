package zander.core.kept;

/** Rights that folders of a purpose usually keep, as a text to begin with. */
public enum ReadyRights {
  /** Everyone may read; what the service needs and nobody else may see is closed. */
  PUBLIC_SITE(
      """
      *            %1$s  %2$s  0644+X  0755
      .env         -     -     0640
      *.key        -     -     0640
      """),
  /** The same, with a folder in which the service writes. */
  SITE_WITH_UPLOADS(
      """
      *            %1$s  %2$s  0644+X  0755
      .env         -     -     0640
      *.key        -     -     0640
      /uploads/    -     -     0664    2775
      """),
  /** All of a group work in it together. */
  SHARED_BY_GROUP(
      """
      *            -     %2$s  0660+X  2770
      """),
  /** The service reads, and nobody else. */
  SECRETS(
      """
      *            %1$s  %2$s  0640    0750
      """),
  /** The owner alone. */
  PRIVATE(
      """
      *            %1$s  -     0600+X  0700
      """);

  private final String lines;

  ReadyRights(String lines) {
    this.lines = lines;
  }

  /**
   * @param owner whose files they are
   * @param group the group that the purpose needs
   */
  public String text(String owner, String group) {
    return KeptText.aligned(String.format(lines, owner, group));
  }
}
