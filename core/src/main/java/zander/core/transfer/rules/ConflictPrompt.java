package zander.core.transfer.rules;

import zander.core.files.FileKind;
import zander.core.transfer.endpoint.TreeEntry;

/** Asks the person about a name that is taken. Called on a background thread, one at a time. */
@FunctionalInterface
public interface ConflictPrompt {
  /**
   * @param path for people, on the side that receives
   * @param from where it comes from, relative to the source, in wire form
   * @param to where it goes, relative to the target
   * @param coming what would arrive
   * @param there what is there
   * @param more how many more wait for an answer
   */
  record Question(
      String path, String from, String to, TreeEntry coming, TreeEntry there, int more) {
    /** A folder cannot be replaced by a file, nor a file by a folder; only put beside it. */
    public boolean mayReplace() {
      return coming.kind() != FileKind.FOLDER && there.kind() != FileKind.FOLDER;
    }

    /** The ending that files of this kind share, with its dot; empty for none. */
    public String ending() {
      return ConflictPrompt.ending(coming.name());
    }
  }

  /** The ending of a name with its dot; empty for none. */
  static String ending(String name) {
    int dot = name.lastIndexOf('.');
    return dot > 0 ? name.substring(dot) : "";
  }

  /** What an answer is meant for. */
  enum For {
    THIS,
    /** All files with the same ending. */
    KIND,
    REST
  }

  /**
   * @param choice what to do; not {@code ASK}
   */
  record Answer(ConflictRule choice, For meant) {}

  /** Waits for the person; {@code null} stops the transfer. */
  Answer ask(Question question);
}
