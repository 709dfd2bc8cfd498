package zander.suite;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaModifier;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What packages and classes must not become: crowded, and knotted. Nested classes count as one. */
final class Rooms {
  private Rooms() {}

  private static boolean isTop(JavaClass type, String root) {
    return type.getPackageName().startsWith(root)
        && type.getEnclosingClass().isEmpty()
        && !type.getSimpleName().equals("package-info");
  }

  private static JavaClass top(JavaClass type) {
    return type.getEnclosingClass().map(Rooms::top).orElse(type);
  }

  /** Packages with more classes than that, and how many. */
  static Map<String, Long> crowded(JavaClasses all, String root, int most) {
    Map<String, Long> counts =
        all.stream()
            .filter(type -> isTop(type, root))
            .collect(
                Collectors.groupingBy(
                    JavaClass::getPackageName, TreeMap::new, Collectors.counting()));
    counts.values().removeIf(count -> count <= most);
    return counts;
  }

  /** Groups of more classes than that in which each leads to each. */
  static List<Set<String>> knots(JavaClasses all, String root, int most) {
    Map<String, Set<String>> to = new TreeMap<>();
    for (JavaClass type : all) {
      if (type.getPackageName().startsWith(root)) {
        String from = top(type).getName();
        type.getDirectDependenciesFromSelf().stream()
            .map(dependency -> top(dependency.getTargetClass().getBaseComponentType()))
            .filter(other -> other.getPackageName().startsWith(root))
            .map(JavaClass::getName)
            .filter(other -> !other.equals(from))
            .forEach(other -> to.computeIfAbsent(from, x -> new HashSet<>()).add(other));
      }
    }
    Map<String, Set<String>> reached = new HashMap<>();
    to.keySet().forEach(from -> reached.put(from, reachable(from, to)));
    List<Set<String>> knots = new ArrayList<>();
    Set<String> done = new HashSet<>();
    for (String one : to.keySet()) {
      if (done.add(one)) {
        Set<String> knot = new TreeSet<>(Set.of(one));
        for (String other : reached.get(one)) {
          if (reached.getOrDefault(other, Set.of()).contains(one)) {
            knot.add(other);
          }
        }
        done.addAll(knot);
        if (knot.size() > most) {
          knots.add(knot);
        }
      }
    }
    return knots;
  }

  /** Public constructors with more parameters than that; a record names each of its own. */
  static List<String> needy(JavaClasses all, int most) {
    return all.stream()
        .filter(type -> !type.isRecord() && !type.isAnonymousClass())
        .flatMap(type -> type.getConstructors().stream())
        .filter(one -> one.getModifiers().contains(JavaModifier.PUBLIC))
        .filter(one -> one.getRawParameterTypes().size() > most)
        .map(one -> one.getFullName())
        .sorted()
        .toList();
  }

  /** Folders with Java files whose {@code package-info.java} does not have that word. */
  static Set<String> without(String word, Path folder) throws IOException {
    Set<String> found = new TreeSet<>();
    try (Stream<Path> files = Files.walk(folder)) {
      for (Path file : files.filter(path -> path.toString().endsWith(".java")).toList()) {
        Path said = file.resolveSibling("package-info.java");
        if (!Files.exists(said) || !Files.readString(said).contains(word)) {
          found.add(file.getParent().toString());
        }
      }
    }
    return found;
  }

  /** Puts how many lines each Java file below a folder has into a map. */
  static void lengths(Path folder, Map<String, Long> lengths) throws IOException {
    try (Stream<Path> files = Files.walk(folder)) {
      for (Path file : files.filter(path -> path.toString().endsWith(".java")).toList()) {
        try (Stream<String> lines = Files.lines(file)) {
          lengths.put(file.toString(), lines.count());
        }
      }
    }
  }

  private static Set<String> reachable(String from, Map<String, Set<String>> to) {
    Set<String> seen = new HashSet<>();
    Deque<String> next = new ArrayDeque<>(to.getOrDefault(from, Set.of()));
    while (!next.isEmpty()) {
      String one = next.pop();
      if (seen.add(one)) {
        next.addAll(to.getOrDefault(one, Set.of()));
      }
    }
    return seen;
  }
}
