package zander.core.edit;

/** How a line ends in a file. */
public enum LineEnd {
  LF("\n"),
  CRLF("\r\n"),
  CR("\r");

  private final String text;

  LineEnd(String text) {
    this.text = text;
  }

  public String text() {
    return text;
  }
}
