package zander.core.access;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;
import zander.core.rights.Rights;

/**
 * What decides who can do what with an entry: all on the way to it, links followed, and the entry.
 *
 * @param way from the root on; links are in it and decide nothing themselves
 * @param entry where it is in the end, links followed
 * @param named where its name is: the link, if it is one
 * @param seesLists whether access control lists are seen
 * @param seesMounts whether it is seen how file systems are mounted
 */
public record PathFacts(
    List<Place> way, Place entry, Place named, boolean seesLists, boolean seesMounts) {

  /**
   * One place on the way.
   *
   * @param is {@code null} where it cannot be looked at
   * @param list {@code null} for none, or none that is known
   * @param mounted {@code null} where that is not known
   * @param flags letters of lsattr(1); empty for none, or none that are known
   * @param target where a link leads, in wire form; {@code null} for what is none
   * @param guarded whether it is a link at the end of a path that is not followed for everybody in
   *     a folder such as {@code /tmp} (proc(5), protected_symlinks)
   */
  public record Place(
      RemotePath path,
      RemoteAttributes is,
      @Nullable AccessList list,
      @Nullable MountedAs mounted,
      String flags,
      @Nullable String target,
      boolean guarded) {
    public Rights rights() {
      return new Rights(is.uid(), is.gid(), is.mode());
    }

    public boolean isFolder() {
      return is != null && is.isFolder();
    }

    boolean isLink() {
      return is != null && is.kind() == FileKind.LINK;
    }

    boolean isImmutable() {
      return flags.indexOf('i') >= 0;
    }

    boolean isAppendOnly() {
      return flags.indexOf('a') >= 0;
    }

    boolean isMountedReadOnly() {
      return mounted != null && mounted.isReadOnly();
    }

    boolean isMountedToRunNothing() {
      return mounted != null && mounted.runsNothing();
    }

    boolean isMountPoint() {
      return mounted != null && mounted.at().equals(path);
    }

    /** Whether its rights are fixed, by how it is mounted or by its flags. */
    boolean cannotBeChanged() {
      return isMountedReadOnly() || isImmutable() || isAppendOnly();
    }

    /** The same with other rights and another list. */
    public Place with(Rights rights, @Nullable AccessList other) {
      RemoteAttributes now =
          new RemoteAttributes(
              is.kind(),
              is.size(),
              rights.uid(),
              rights.gid(),
              rights.mode(),
              is.modified(),
              is.accessed());
      return new Place(path, now, other, mounted, flags, target, guarded);
    }
  }

  /** The folder that a name is in; {@code null} for the root. */
  @Nullable Place folderOf(Place place) {
    RemotePath folder = place.path().parent();
    return place.path().isRoot()
        ? null
        : way.stream().filter(one -> one.path().equals(folder)).findFirst().orElse(null);
  }

  /** The same with one place as it would be. */
  public PathFacts with(Place changed) {
    List<Place> places =
        way.stream().map(one -> one.path().equals(changed.path()) ? changed : one).toList();
    return new PathFacts(
        places,
        entry.path().equals(changed.path()) ? changed : entry,
        named.path().equals(changed.path()) ? changed : named,
        seesLists,
        seesMounts);
  }
}
