package zander.core.config;

import java.util.ArrayList;
import java.util.List;

/**
 * Goes through a configuration for one host. What a later block asks may be what an earlier one
 * said, so it goes line by line; a second time where {@code Match final} wants it.
 */
final class Resolution {
  private final String original;
  private final LocalSide local;
  private final List<ConfigLine> lines = new ArrayList<>();
  private boolean wantsFinal;
  private boolean isFinal;
  private boolean isSpecific;

  private Resolution(String original, LocalSide local) {
    this.original = original;
    this.local = local;
  }

  static Resolution of(String name, List<ConfigBlock> blocks, LocalSide local) {
    Resolution resolution = new Resolution(name, local);
    resolution.take(blocks);
    if (resolution.wantsFinal) {
      resolution.isFinal = true;
      resolution.take(blocks);
    }
    return resolution;
  }

  private void take(List<ConfigBlock> blocks) {
    for (ConfigBlock block : blocks) {
      if (!block.condition().holds(this)) {
        continue;
      }
      isSpecific |= block.condition().isSpecific();
      for (ConfigBlock.Item item : block.items()) {
        if (item instanceof ConfigLine line) {
          lines.add(line);
        } else if (item instanceof ConfigBlock.Included included) {
          take(included.blocks());
        }
      }
    }
  }

  /** All that hold, in their order. */
  List<ConfigLine> lines() {
    return lines;
  }

  /** Whether any block was about this host, and not about all. */
  boolean isSpecific() {
    return isSpecific;
  }

  /** What {@code Host} is compared with. */
  String host() {
    return isFinal ? target() : original;
  }

  String original() {
    return original;
  }

  /** Where it goes, as far as that is said by now. */
  String target() {
    String said = ConfigLine.first(lines, "hostname").orElse(null);
    return said == null ? original : Tokens.hostName(said, original);
  }

  String user() {
    return ConfigLine.first(lines, "user", local.user());
  }

  LocalSide local() {
    return local;
  }

  boolean isFinal() {
    return isFinal;
  }

  void wantFinal() {
    wantsFinal = true;
  }
}
