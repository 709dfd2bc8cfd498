package zander.desk.transfer;

import java.util.Locale;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import zander.core.transfer.compare.TreeComparison;
import zander.core.transfer.compare.TreeComparison.Report;
import zander.core.transfer.compare.TreeComparison.Row;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.rules.IgnorePatterns;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;

/** A comparison of two trees by checksum, and its report. Interface thread only. */
public final class CheckModel extends Sheet {
  private final TransferRoute route;
  private final IgnorePatterns leaveOut;
  private final BackgroundScan<Report> looking;

  public CheckModel(OpenDesk desk, TransferRoute route, IgnorePatterns leaveOut) {
    this.route = route;
    this.leaveOut = leaveOut;
    this.looking = new BackgroundScan<>(desk, this);
    setTitle("Check: " + TransferWords.what(route.names()));
    look();
  }

  /** Compares once more. */
  public void look() {
    looking.begin(
        (stop, soFar) ->
            new TreeComparison(
                    route.source().apply(new PartialNames()),
                    route.target().apply(new PartialNames()),
                    leaveOut,
                    stop)
                .run(route.names(), soFar));
  }

  @Override
  public void close() {
    looking.stop();
  }

  public String way() {
    return route.way();
  }

  /** The outcome in one line. */
  public String outcome() {
    return outcome(reportProperty().get(), runningProperty().get());
  }

  static String outcome(Report now, boolean running) {
    if (now == null) {
      return running ? "Comparing" : "Nothing was compared: it broke off before the first file";
    }
    String compared =
        Texts.count(now.equal(), "file")
            + ", "
            + Texts.size(now.bytes())
            + ", the same by checksum";
    long differing = now.differing();
    if (running || !now.complete()) {
      return (running ? "" : "Broke off, so this is not the whole: ")
          + compared
          + " so far"
          + (differing == 0 ? "" : ", " + Texts.count(differing) + " not")
          + (running ? "" : ". The rest was not compared.");
    }
    return differing == 0
        ? "Nothing differs in content: " + compared
        : Texts.count(differing) + (differing == 1 ? " differs: " : " differ; ") + compared;
  }

  /** How a row differs, in words. */
  public String words(Row row) {
    String source = firstSide().toLowerCase(Locale.ROOT);
    String target = secondSide().toLowerCase(Locale.ROOT);
    return switch (row.difference()) {
      case ONLY_HERE -> "only " + source;
      case ONLY_THERE -> "only " + target;
      case OTHER_KIND -> "not the same kind of thing";
      case OTHER_CONTENT -> "content differs";
      case OTHER_TARGET -> "links lead elsewhere";
      case OTHER_MODE -> "mode differs";
      case OTHER_TIME -> "time differs";
      case UNREAD -> "could not be read";
    };
  }

  public String firstSide() {
    return switch (route.direction()) {
      case SEND_UP -> "Here";
      case BRING_DOWN -> "On the server";
      case ACROSS -> "On this server";
    };
  }

  public String secondSide() {
    return switch (route.direction()) {
      case SEND_UP -> "On the server";
      case BRING_DOWN -> "Here";
      case ACROSS -> "On the other server";
    };
  }

  public ReadOnlyObjectProperty<Report> reportProperty() {
    return looking.foundProperty();
  }

  public ReadOnlyBooleanProperty runningProperty() {
    return looking.runningProperty();
  }
}
