package zander.core.crossing;

/** Asks the person about a name that is taken. Called on a background thread, one at a time. */
@FunctionalInterface
public interface ExistsTalk {
  /**
   * @param path for people, on the side that receives
   * @param coming what would arrive
   * @param there what is there
   */
  record Question(String path, Node coming, Node there) {
    /** A folder cannot be replaced by a file, nor a file by a folder; only put beside it. */
    public boolean mayReplace() {
      return coming.kind() != zander.core.files.FileKind.FOLDER
          && there.kind() != zander.core.files.FileKind.FOLDER;
    }
  }

  /**
   * @param choice what to do; not {@code ASK}
   * @param forRest whether the same is meant for the rest of this crossing
   */
  record Answer(WhenExists choice, boolean forRest) {}

  /** Waits for the person; {@code null} stops the crossing. */
  Answer ask(Question question);
}
