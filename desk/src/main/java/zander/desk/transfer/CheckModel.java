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
import zander.desk.words.Words;

/** A comparison of two trees by checksum, and its report. Interface thread only. */
public final class CheckModel extends Sheet {
  private static final Words WORDS = Words.of(CheckModel.class);

  private final TransferRoute route;
  private final IgnorePatterns leaveOut;
  private final BackgroundScan<Report> looking;

  public CheckModel(OpenDesk desk, TransferRoute route, IgnorePatterns leaveOut) {
    this.route = route;
    this.leaveOut = leaveOut;
    this.looking = new BackgroundScan<>(desk, this);
    setTitle(WORDS.say("check", TransferWords.what(route.names())));
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
      return running ? WORDS.say("comparing") : WORDS.say("nothingWasComparedIt");
    }
    String compared =
        WORDS.say("theSameByChecksum", Texts.count(now.equal(), "file"), Texts.size(now.bytes()));
    long differing = now.differing();
    if (running || !now.complete()) {
      return WORDS.say(
          "soFar",
          (running ? "" : WORDS.say("brokeOffSoThis")) + compared,
          differing == 0 ? "" : WORDS.say("not", Texts.count(differing)),
          running ? "" : WORDS.say("theRestWasNot"));
    }
    return differing == 0
        ? WORDS.say("nothingDiffersInContent", compared)
        : Texts.count(differing)
            + (differing == 1 ? WORDS.say("differs") : WORDS.say("differ"))
            + compared;
  }

  /** How a row differs, in words. */
  public String words(Row row) {
    String source = firstSide().toLowerCase(Locale.ROOT);
    String target = secondSide().toLowerCase(Locale.ROOT);
    return switch (row.difference()) {
      case ONLY_HERE -> WORDS.say("only", source);
      case ONLY_THERE -> WORDS.say("only", target);
      case OTHER_KIND -> WORDS.say("notTheSameKind");
      case OTHER_CONTENT -> WORDS.say("contentDiffers");
      case OTHER_TARGET -> WORDS.say("linksLeadElsewhere");
      case OTHER_MODE -> WORDS.say("modeDiffers");
      case OTHER_TIME -> WORDS.say("timeDiffers");
      case UNREAD -> WORDS.say("couldNotBeRead");
    };
  }

  public String firstSide() {
    return switch (route.direction()) {
      case SEND_UP -> WORDS.say("here");
      case BRING_DOWN -> WORDS.say("onTheServer");
      case ACROSS -> WORDS.say("onThisServer");
    };
  }

  public String secondSide() {
    return switch (route.direction()) {
      case SEND_UP -> WORDS.say("onTheServer");
      case BRING_DOWN -> WORDS.say("here");
      case ACROSS -> WORDS.say("onTheOtherServer");
    };
  }

  public ReadOnlyObjectProperty<Report> reportProperty() {
    return looking.foundProperty();
  }

  public ReadOnlyBooleanProperty runningProperty() {
    return looking.runningProperty();
  }
}
