package zander.desk.transfer;

import static java.util.Objects.requireNonNull;

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
import zander.desk.words.Words;

/** What a transfer would do, before it is begun. Interface thread only. */
public final class PlanModel extends Sheet {
  private static final Words WORDS = Words.of(PlanModel.class);

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
    setTitle(WORDS.say("plan", TransferWords.what(route.names())));
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
      return WORDS.say("lookingAtBothSides");
    }
    StringBuilder words = new StringBuilder();
    add(words, now, Deed.ARRIVES, WORDS.say("new"));
    add(words, now, Deed.REPLACES, WORDS.say("replaced"));
    add(words, now, Deed.BESIDE, WORDS.say("putBeside"));
    add(words, now, Deed.IS_ASKED, WORDS.say("toBeAskedAbout"));
    add(words, now, Deed.IS_COMPARED, WORDS.say("toBeComparedBy"));
    add(words, now, Deed.STAYS, WORDS.say("leftAsTheyAre"));
    add(words, now, Deed.IS_SAME, WORDS.say("theSame"));
    add(words, now, Deed.CANNOT, WORDS.say("cannotBeTransferred"));
    add(words, now, Deed.DELETED, WORDS.say("deletedThere"));
    add(words, now, Deed.ONLY_THERE, WORDS.say("onlyThere"));
    long left = now.leftOut().values().stream().mapToLong(Long::longValue).sum();
    if (left > 0) {
      words.append("  ·  ").append(Texts.count(left)).append(WORDS.say("leftOut"));
    }
    String all = words.length() == 0 ? WORDS.say("nothingToDo") : words.substring(5);
    return all + (scanningProperty().get() ? WORDS.say("stillLooking") : "");
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
    String bytes = WORDS.say("toBeTransferred", Texts.size(now.bytes()));
    return now.free() < 0
        ? bytes
        : WORDS.say(
            "freeThere",
            bytes,
            Texts.size(now.free()),
            now.fits() ? "" : WORDS.say("notEnoughRoom"));
  }

  /** What becomes of a row, in a word or two. */
  public String deed(Row row) {
    return switch (row.deed()) {
      case ARRIVES ->
          requireNonNull(row.node(), "it arrives").kind() == zander.core.files.FileKind.FOLDER
              ? WORDS.say("newFolder")
              : WORDS.say("new");
      case REPLACES ->
          switch (row.standing()) {
            case NEWER -> WORDS.say("replacesAnOlderOne");
            case OLDER -> WORDS.say("replacesANewerOne");
            default -> WORDS.say("replaces");
          };
      case IS_ASKED ->
          switch (row.standing()) {
            case NEWER -> WORDS.say("asksNewerHere");
            case OLDER -> WORDS.say("asksNewerThere");
            case IN_THE_WAY -> WORDS.say("asksInTheWay");
            default -> WORDS.say("asksDiffers");
          };
      case IS_COMPARED -> WORDS.say("replacesIfContentDiffers");
      case BESIDE -> WORDS.say("putBeside");
      case IS_SAME -> WORDS.say("theSame");
      case STAYS -> WORDS.say("staysAsItIs");
      case LEFT_OUT -> WORDS.say("isLeftOut");
      case CANNOT -> WORDS.say("cannotBeTransferred");
      case ONLY_THERE -> WORDS.say("onlyThere");
      case DELETED -> WORDS.say("deletedThere");
    };
  }

  public ReadOnlyObjectProperty<TransferPlan.Result> planProperty() {
    return looking.foundProperty();
  }

  public ReadOnlyBooleanProperty scanningProperty() {
    return looking.runningProperty();
  }
}
