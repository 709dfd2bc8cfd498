package zander.desk.crossing;

import java.util.List;
import java.util.function.BiConsumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import zander.core.crossing.PartNames;
import zander.core.crossing.Plan;
import zander.core.crossing.Plan.Deed;
import zander.core.crossing.Plan.Row;
import zander.core.crossing.Rules;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;

/** What a crossing would do, before it is begun. Interface thread only. */
public final class PlanModel extends Sheet {
  private final Route route;
  private final BiConsumer<Rules, List<String>> begin;
  private final Looking<Plan.Result> looking;
  private Rules rules;

  /**
   * @param begin starts the crossing, with what is to be deleted for a mirror
   */
  public PlanModel(OpenDesk desk, Route route, Rules rules, BiConsumer<Rules, List<String>> begin) {
    this.route = route;
    this.rules = rules;
    this.begin = begin;
    this.looking = new Looking<>(desk, this);
    setTitle("Plan: " + CrossingWords.what(route.names()));
    look();
  }

  /** Scans both sides again. */
  public void look() {
    Rules by = rules;
    looking.begin(
        (stop, soFar) ->
            new Plan(
                    route.source().apply(new PartNames()),
                    route.target().apply(new PartNames()),
                    by,
                    stop)
                .make(route.names(), soFar));
  }

  /** Makes it a mirror, or not: what is only over there would be deleted. */
  public void mirror(boolean wanted) {
    rules = rules.mirror(wanted);
    look();
  }

  public boolean isMirror() {
    return rules.mirror();
  }

  /** Begins the crossing as it is planned. */
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
    Plan.Result now = planProperty().get();
    if (now == null) {
      return "Looking at both sides";
    }
    StringBuilder words = new StringBuilder();
    add(words, now, Deed.ARRIVES, "new");
    add(words, now, Deed.REPLACES, "replaced");
    add(words, now, Deed.BESIDE, "put beside");
    add(words, now, Deed.IS_ASKED, "to be asked about");
    add(words, now, Deed.STAYS, "left as they are there");
    add(words, now, Deed.IS_SAME, "the same");
    add(words, now, Deed.CANNOT, "cannot cross");
    add(words, now, Deed.DELETED, "deleted there");
    add(words, now, Deed.ONLY_THERE, "only there");
    long left = now.leftOut().values().stream().mapToLong(Long::longValue).sum();
    if (left > 0) {
      words.append("  ·  ").append(Texts.count(left)).append(" left out");
    }
    String all = words.length() == 0 ? "nothing to do" : words.substring(5);
    return all + (scanningProperty().get() ? "  ·  still looking" : "");
  }

  private static void add(StringBuilder words, Plan.Result plan, Deed deed, String what) {
    Plan.Sum sum = plan.sum(deed);
    if (sum.count() > 0) {
      words.append("  ·  ").append(Texts.count(sum.count())).append(' ').append(what);
    }
  }

  /** Bytes to cross and room for them, in words. */
  public String room() {
    Plan.Result now = planProperty().get();
    if (now == null) {
      return "";
    }
    String bytes = Texts.size(now.bytes()) + " to cross";
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
      case BESIDE -> "put beside";
      case IS_SAME -> "the same";
      case STAYS -> "stays as it is there";
      case LEFT_OUT -> "left out";
      case CANNOT -> "cannot cross";
      case ONLY_THERE -> "only there";
      case DELETED -> "deleted there";
    };
  }

  public ReadOnlyObjectProperty<Plan.Result> planProperty() {
    return looking.foundProperty();
  }

  public ReadOnlyBooleanProperty scanningProperty() {
    return looking.runningProperty();
  }
}
