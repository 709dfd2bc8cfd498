package zander.core.change.save;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.AtomicSave.Saved;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteFiles;
import zander.core.journal.Journal;

/**
 * Saves several files as one change: each as {@link AtomicSave} does, and all of them or none. What
 * looks at all that belongs together does so once, when the last is in its place; when that, or any
 * of the saves, fails, those that were made are put back, the last first. The journal has them as
 * one change. Between the first rename and the last the server has some of the new files and some
 * of the old: no file system renames several at once.
 */
public final class JointSave {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public JointSave(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /**
   * One of the files.
   *
   * @param opened the version that the content is based on
   * @param check looks at the new content before any of it counts
   */
  public record Part(FileVersion opened, byte[] content, StagedCheck check) {}

  /** All of it did not come about. */
  public static final class Failure extends IOException {
    private final int part;
    private final transient List<Saved> standing;

    private Failure(int part, List<Saved> standing, Exception why) {
      super(why.getMessage(), why);
      this.part = part;
      this.standing = standing;
    }

    /**
     * Which of the files it is about, counted from 0; -1 when the check of all together names none.
     */
    public int part() {
      return part;
    }

    /** Those that could not be put back: the server has them as they were to be. */
    public List<Saved> standing() {
      return standing;
    }
  }

  /**
   * Saves them, in their order; waits.
   *
   * @param afterwards run once all are in their places
   * @throws Failure when not all of them were saved; its cause says why
   */
  public List<Saved> save(List<Part> parts, List<StagedCheck> afterwards) throws Failure {
    long group = journal.newGroup();
    List<Saved> made = new ArrayList<>();
    for (int i = 0; i < parts.size(); i++) {
      Part part = parts.get(i);
      try {
        made.add(
            new AtomicSave(files, commands, journal)
                .trying(part.check())
                .save(part.opened(), part.content(), List.of(), group, 0));
      } catch (SaveFailure | RuntimeException e) {
        throw new Failure(i, putBack(made), e);
      }
    }
    for (StagedCheck check : afterwards) {
      Saved first = made.get(0);
      try {
        check.run(commands, first.version().real(), first.version().real());
      } catch (CheckRefused e) {
        int about = about(e, parts);
        throw new Failure(
            about,
            putBack(made),
            refused(parts.get(Math.max(0, about)), aboutOne(e, parts, about)));
      } catch (IOException | CancellationException e) {
        throw new Failure(-1, putBack(made), e);
      }
    }
    return List.copyOf(made);
  }

  /** The first that what was said names a line of; -1 for none. */
  private static int about(CheckRefused refused, List<Part> parts) {
    for (int i = 0; i < parts.size(); i++) {
      if (aboutOne(refused, parts, i).line().isPresent()) {
        return i;
      }
    }
    return -1;
  }

  private static CheckRefused aboutOne(CheckRefused refused, List<Part> parts, int one) {
    return one < 0 ? refused : refused.about(parts.get(one).opened().real().name());
  }

  private static SaveFailure refused(Part part, CheckRefused why) {
    return new SaveFailure(
        SaveFailure.Step.TRY_AFTER,
        SaveFailure.Reason.CHECK_REFUSED,
        SaveFailure.ServerState.OLD,
        part.opened(),
        null,
        why);
  }

  /**
   * Puts back what {@link #save} made, the last first; waits. One that another changed since stays.
   *
   * @return those that could not be put back
   */
  public List<Saved> putBack(List<Saved> made) {
    long group = journal.newGroup();
    List<Saved> standing = new ArrayList<>();
    for (int i = made.size() - 1; i >= 0; i--) {
      Saved saved = made.get(i);
      try {
        new AtomicSave(files, commands, journal)
            .save(saved.version(), saved.replaced(), List.<Allow>of(), group, saved.entry());
      } catch (SaveFailure | RuntimeException e) {
        standing.add(0, saved);
      }
    }
    return standing;
  }
}
