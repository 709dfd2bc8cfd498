package zander.standin.world;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** The users and groups of a made-up server. Filled at start, then only read. */
public final class Accounts {
  private final Map<String, Account> users = new LinkedHashMap<>();
  private final Map<String, Integer> groups = new LinkedHashMap<>();

  public void add(Account account) {
    users.put(account.name(), account);
  }

  public void addGroup(String name, int gid) {
    groups.put(name, gid);
  }

  public Optional<Account> user(String name) {
    return Optional.ofNullable(users.get(name));
  }

  public Optional<String> userName(int uid) {
    return users.values().stream().filter(a -> a.uid() == uid).map(Account::name).findFirst();
  }

  public Optional<String> groupName(int gid) {
    return groups.entrySet().stream()
        .filter(e -> e.getValue() == gid)
        .map(Map.Entry::getKey)
        .findFirst();
  }

  public Optional<Integer> gid(String name) {
    return Optional.ofNullable(groups.get(name));
  }

  public Caller caller(Account account) {
    Set<Integer> all = new TreeSet<>(Set.of(account.gid()));
    account.groups().forEach(name -> gid(name).ifPresent(all::add));
    return new Caller(account.uid(), account.gid(), Set.copyOf(all));
  }

  /** Lines in the form of {@code /etc/passwd}. */
  public String passwd() {
    StringBuilder lines = new StringBuilder();
    users.values().stream()
        .sorted(Comparator.comparingInt(Account::uid))
        .forEach(
            a ->
                lines.append(
                    String.format(
                        "%s:x:%d:%d:%s:%s:%s\n",
                        a.name(), a.uid(), a.gid(), "", a.home(), a.shell())));
    return lines.toString();
  }

  /** Lines in the form of {@code /etc/group}. */
  public String groupFile() {
    StringBuilder lines = new StringBuilder();
    groups.forEach(
        (name, gid) -> {
          Set<String> members = new TreeSet<>();
          users.values().stream()
              .filter(a -> a.groups().contains(name))
              .forEach(a -> members.add(a.name()));
          lines.append(name + ":x:" + gid + ":" + String.join(",", members) + "\n");
        });
    return lines.toString();
  }
}
