package zander.desk.rights.tree;

import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/**
 * What the rows of a sheet on the rights of trees say.
 *
 * @param account who makes the change
 */
public record TreeTexts(TreeRoots roots, AccountNames names, String account) {
  /** What a row says. */
  public String of(PlanRow row) {
    return PlanWords.of(row.group(), names, account);
  }

  /** What becomes of one entry. */
  public String of(TreePlan.Planned planned) {
    return PlanWords.change(planned.step(), names);
  }

  /** Why one was left. */
  public String of(TreeOutcome.Left one) {
    return PlanWords.why(one);
  }

  /** A path as it is shown, from the folder of the request. */
  public String below(RemotePath path) {
    String base = roots.base().isRoot() ? "/" : roots.base().wire() + "/";
    String wire = path.wire();
    return WireName.toText(wire.startsWith(base) ? wire.substring(base.length()) : wire);
  }

  public String example(PlanRow row) {
    return row.group().examples().isEmpty() ? "" : WireName.toText(row.group().examples().get(0));
  }
}
