package zander.desk.rights.tree;

import zander.core.files.AccountNames;
import zander.core.rights.RightsWish;
import zander.desk.sheet.OpenDesk;

/**
 * What is asked of the rights of all that is in folders. As it stands here it is known from the
 * beginning, with nothing to be filled in. Interface thread only.
 */
public interface RightsRequest {
  RightsWish wish(AccountNames names);

  /** In a line; empty when nothing is asked. */
  String words();

  /** What the sheet is called, before anything was looked at. */
  String heading(String about);

  /** Why it cannot be looked at yet; empty when it can. */
  default String problem(AccountNames names) {
    return "";
  }

  /** Whether what is mounted below is meant too. */
  default boolean isForOtherFileSystems() {
    return false;
  }

  /** Whether there is something to be filled in. */
  default boolean isTyped() {
    return false;
  }

  /** Told whenever something else is asked. */
  default void onChange(Runnable changed) {}

  /** The same, to be changed apart, on another desk. */
  default RightsRequest copyFor(OpenDesk desk) {
    return this;
  }

  /** The sheet is closed. */
  default void close() {}
}
