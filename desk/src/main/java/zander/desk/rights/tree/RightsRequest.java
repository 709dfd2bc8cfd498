package zander.desk.rights.tree;

import zander.core.files.AccountNames;
import zander.core.rights.RightsWish;

/** What is asked of the rights of all that is in folders. Interface thread only. */
public interface RightsRequest {
  /** Why it cannot be looked at yet; empty when it can. */
  String problem(AccountNames names);

  RightsWish wish(AccountNames names);

  /** In a line; empty when nothing is asked. */
  String words();

  /** Whether what is mounted below is meant too. */
  boolean isForOtherFileSystems();

  /** Told whenever something else is asked. */
  void onChange(Runnable changed);

  /** The same, to be changed apart, on another desk. */
  RightsRequest copyFor(zander.desk.sheet.OpenDesk desk);

  /** The sheet is closed. */
  default void close() {
    // Most hold nothing.
  }

  /** What the sheet is called, before anything was looked at. */
  String heading(String about);
}
