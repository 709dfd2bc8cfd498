package zander.desk.transfer;

import java.util.List;
import java.util.function.BiConsumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import zander.core.transfer.compare.TransferPlan;
import zander.core.transfer.compare.TransferPlan.Deed;
import zander.core.transfer.compare.TransferPlan.Row;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.rules.TransferRules;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;

/** What a transfer would do, before it is begun. Interface thread only. */
public final class PlanModel extends Sheet {
  private final TransferRoute route;
  private final BiConsumer<TransferRules, List<String>> begin;
  private final BackgroundScan<TransferPlan.Result> looking;
  private TransferRules rules;

  /**
   * @param begin starts the transfer, with what is to be deleted for a mirror
   */
  public PlanModel(
      OpenDesk desk,
      TransferRoute route,
      TransferRules rules,
      BiConsumer<TransferRules, List<String>> begin) {
    this.route = route;
    this.rules = rules;
    this.begin = begin;
    this.looking = new BackgroundScan<>(desk, this);
    setTitle("Plan: " + TransferWords.what(route.names()));
    look();
  }

  /** Scans both sides again. */
  public void look() {
    TransferRules by = rules;
    looking.begin(
        (stop, soFar) ->
            new TransferPlan(
                    route.source().apply(new PartialNames()),
                    route.target().apply(new PartialNames()),
                    by,
                    stop)
                .make(route.names(), soFar));
  }

  /** Makes it a mirror, or not: what is only over there would be deleted. */
  public void mirror(boolean wanted) {
    rules = rules.mirror(wanted);
    look();
  }

  /** Begins the transfer as it is planned. */
  public void begin() {
    begin.accept(
        rules,
        rules.mirror() && planProperty().get() != null
            ? planProperty().get().toDelete()
            : List.of());
  }

  /** Whether it may begin: a mirror only from a whole plan. */
  public boolean mayBegin() {
    return planProperty().get() != null
        && (!rules.mirror() || (planProperty().get().complete() && !scanningProperty().get()));
  }

  @Override
  public void close() {
    looking.stop();
  }

  /** From where to where. */
  public String way() {
    return route.way();
  }

  /** The sums in words. */
  public String sums() {
    TransferPlan.Result now = planProperty().get();
    if (now == null) {
      return "Looking at both sides";
    }
    StringBuilder words = new StringBuilder();
    add(words, now, Deed.ARRIVES, "new");
    add(words, now, Deed.REPLACES, "replaced");
    add(words, now, Deed.BESIDE, "put beside");
    add(words, now, Deed.IS_ASKED, "to be asked about");
    add(words, now, Deed.IS_COMPARED, "to be compared by content");
    add(words, now, Deed.STAYS, "left as they are there");
    add(words, now, Deed.IS_SAME, "the same");
    add(words, now, Deed.CANNOT, "cannot be transferred");
    add(words, now, Deed.DELETED, "deleted there");
    add(words, now, Deed.ONLY_THERE, "only there");
    long left = now.leftOut().values().stream().mapToLong(Long::longValue).sum();
    if (left > 0) {
      words.append("  ·  ").append(Texts.count(left)).append(" left out");
    }
    String all = words.length() == 0 ? "nothing to do" : words.substring(5);
    return all + (scanningProperty().get() ? "  ·  still looking" : "");
  }

  private static void add(StringBuilder words, TransferPlan.Result plan, Deed deed, String what) {
    TransferPlan.Sum sum = plan.sum(deed);
    if (sum.count() > 0) {
      words.append("  ·  ").append(Texts.count(sum.count())).append(' ').append(what);
    }
  }

  /** Bytes to be transferred and room for them, in words. */
  public String room() {
    TransferPlan.Result now = planProperty().get();
    if (now == null) {
      return "";
    }
    String bytes = Texts.size(now.bytes()) + " to be transferred";
    return now.free() < 0
        ? bytes
        : bytes
            + ", "
            + Texts.size(now.free())
            + " free there"
            + (now.fits() ? "" : ": not enough room");
  }

  /** What becomes of a row, in a word or two. */
  public String deed(Row row) {
    return switch (row.deed()) {
      case ARRIVES -> row.node().kind() == zander.core.files.FileKind.FOLDER ? "new folder" : "new";
      case REPLACES ->
          switch (row.standing()) {
            case NEWER -> "replaces an older one";
            case OLDER -> "replaces a newer one";
            default -> "replaces";
          };
      case IS_ASKED ->
          switch (row.standing()) {
            case NEWER -> "asks: newer here";
            case OLDER -> "asks: newer there";
            case IN_THE_WAY -> "asks: in the way";
            default -> "asks: differs";
          };
      case IS_COMPARED -> "replaces if content differs";
      case BESIDE -> "put beside";
      case IS_SAME -> "the same";
      case STAYS -> "stays as it is there";
      case LEFT_OUT -> "left out";
      case CANNOT -> "cannot be transferred";
      case ONLY_THERE -> "only there";
      case DELETED -> "deleted there";
    };
  }

  public ReadOnlyObjectProperty<TransferPlan.Result> planProperty() {
    return looking.foundProperty();
  }

  public ReadOnlyBooleanProperty scanningProperty() {
    return looking.runningProperty();
  }
}
