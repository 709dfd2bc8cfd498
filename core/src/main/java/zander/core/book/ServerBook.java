package zander.core.book;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;

/**
 * The saved servers, in the person's order, and the ones removed lately, which can be put back.
 *
 * @param version the form of the file, now 2
 */
public record ServerBook(int version, List<ServerEntry> servers, List<ServerEntry> removed) {
  static final int VERSION = 2;
  private static final int MOST_REMOVED = 20;

  public ServerBook {
    servers = servers == null ? List.of() : List.copyOf(servers);
    removed = removed == null ? List.of() : List.copyOf(removed);
  }

  public static ServerBook of(List<ServerEntry> servers) {
    return new ServerBook(VERSION, servers, List.of());
  }

  public Optional<ServerEntry> named(String name) {
    return servers.stream().filter(entry -> entry.name().equals(name)).findFirst();
  }

  /** With an entry added; its name is made unique. */
  public ServerBook with(ServerEntry entry) {
    List<ServerEntry> all = new ArrayList<>(servers);
    all.add(entry.withName(freeName(entry.name())));
    return new ServerBook(VERSION, all, removed);
  }

  /**
   * With an entry in the place of another, which may have had another name; servers that go through
   * it follow. When the other is not there any more, it is added.
   *
   * @throws IllegalArgumentException when the new name is another's
   */
  public ServerBook with(String name, ServerEntry entry) {
    if (!name.equals(entry.name()) && named(entry.name()).isPresent()) {
      throw new InvalidInput(InputPhrase.NAME_TAKEN.of(entry.name()));
    }
    if (named(name).isEmpty()) {
      return with(entry);
    }
    List<ServerEntry> all = new ArrayList<>();
    for (ServerEntry one : servers) {
      ServerEntry kept = one.name().equals(name) ? entry : one;
      all.add(
          kept.withJump(kept.jump().stream().map(j -> j.equals(name) ? entry.name() : j).toList()));
    }
    return new ServerBook(VERSION, all, removed);
  }

  /** Without an entry, which can be put back. */
  public ServerBook without(String name) {
    List<ServerEntry> gone = new ArrayList<>();
    named(name).ifPresent(gone::add);
    gone.addAll(removed);
    return new ServerBook(
        VERSION,
        servers.stream().filter(entry -> !entry.name().equals(name)).toList(),
        gone.stream().limit(MOST_REMOVED).toList());
  }

  /** With a removed entry back in its book. */
  public ServerBook putBack(ServerEntry entry) {
    List<ServerEntry> left = new ArrayList<>(removed);
    left.remove(entry);
    return new ServerBook(VERSION, with(entry).servers, left);
  }

  /** The name itself when it is free, else with a number. */
  public String freeName(String wanted) {
    String name = wanted;
    for (int number = 2; named(name).isPresent(); number++) {
      name = wanted + " " + number;
    }
    return name;
  }

  /** The names of groups, in the order they come up. */
  public List<String> groups() {
    return servers.stream()
        .map(ServerEntry::group)
        .filter(group -> !group.isEmpty())
        .distinct()
        .toList();
  }
}
