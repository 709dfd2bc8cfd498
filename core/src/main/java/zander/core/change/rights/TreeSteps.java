package zander.core.change.rights;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.RemotePath;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;

/**
 * A change of the rights of many entries, each with what it has before and after: enough to make
 * it, to go on with it and to put it back. As bytes it is what the journal keeps.
 *
 * @param otherFileSystems whether some may be on file systems that are mounted there
 * @param steps what becomes of those with a tag, by its number
 * @param paths from the base of the roots, tagged
 */
public record TreeSteps(
    TreeRoots roots, boolean otherFileSystems, List<RightsStep> steps, PackedPaths paths) {

  /** Tells these bytes from others, and a later form from this one. */
  private static final int FORM = 1;

  private static final int MOST_STEPS = 1 << 20;
  private static final long ID_BITS = 0xffffffffL;

  public TreeSteps {
    steps = List.copyOf(steps);
  }

  /** How many entries. */
  public long size() {
    return paths.size();
  }

  /** The way back. */
  public TreeSteps reversed() {
    return new TreeSteps(
        roots, otherFileSystems, steps.stream().map(RightsStep::reversed).toList(), paths);
  }

  public byte[] toBytes() {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    PackedPaths.put(out, FORM);
    put(out, roots.base().wire());
    PackedPaths.put(out, roots.names().size());
    roots.names().forEach(name -> put(out, name));
    PackedPaths.put(out, otherFileSystems ? 1 : 0);
    PackedPaths.put(out, steps.size());
    for (RightsStep step : steps) {
      PackedPaths.put(out, step.folder() ? 1 : 0);
      put(out, step.before());
      put(out, step.after());
    }
    paths.write(out);
    return out.toByteArray();
  }

  private static void put(ByteArrayOutputStream out, String wire) {
    byte[] bytes = wire.getBytes(StandardCharsets.ISO_8859_1);
    PackedPaths.put(out, bytes.length);
    out.writeBytes(bytes);
  }

  private static void put(ByteArrayOutputStream out, Rights rights) {
    PackedPaths.put(out, rights.uid() & ID_BITS);
    PackedPaths.put(out, rights.gid() & ID_BITS);
    PackedPaths.put(out, rights.mode().bits());
  }

  /**
   * @throws IOException when these are not such bytes
   */
  public static TreeSteps ofBytes(byte[] bytes) throws IOException {
    try {
      PackedPaths.Block in = new PackedPaths.Block(bytes);
      if (in.number() != FORM) {
        throw new ExplainedException(KeptPhrase.OTHER_FORM.of());
      }
      RemotePath base = RemotePath.ofWire(wire(in));
      List<String> names = new ArrayList<>();
      for (long left = in.number(); left > 0; left--) {
        names.add(wire(in));
      }
      boolean other = in.number() == 1;
      long count = in.number();
      if (count < 0 || count > MOST_STEPS) {
        throw new ExplainedException(KeptPhrase.DAMAGED.of());
      }
      List<RightsStep> steps = new ArrayList<>();
      for (long left = count; left > 0; left--) {
        steps.add(new RightsStep(in.number() == 1, rights(in), rights(in)));
      }
      PackedPaths paths = PackedPaths.read(bytes, in.at());
      paths.forEach((path, tag, file) -> steps.get(tag));
      return new TreeSteps(new TreeRoots(base, List.copyOf(names)), other, steps, paths);
    } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
      throw new ExplainedException(KeptPhrase.DAMAGED.of(), e);
    }
  }

  private static String wire(PackedPaths.Block in) throws IOException {
    return new String(in.bytes(in.number()), StandardCharsets.ISO_8859_1);
  }

  private static Rights rights(PackedPaths.Block in) throws IOException {
    int uid = (int) in.number();
    int gid = (int) in.number();
    return new Rights(uid, gid, new Mode((int) in.number()));
  }
}
