package zander.core.config;

import java.util.List;

/**
 * What stands between two lines that say for which hosts.
 *
 * @param items in their order
 */
record ConfigBlock(Condition condition, List<Item> items) {
  /** What may stand in one. */
  sealed interface Item permits ConfigLine, Included {}

  /** The blocks of a file that is included there. */
  record Included(List<ConfigBlock> blocks) implements Item {}
}
