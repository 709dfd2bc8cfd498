package zander.desk.compare;

import zander.core.change.save.FileVersion;
import zander.core.files.RemotePath;

/** An open file whose versions are compared. Used on the interface thread. */
public interface ComparedFile {
  RemotePath path();

  /** The version on the server that the text is based on. */
  FileVersion version();

  /** The text as it is in the editor. */
  String text();

  /** The text of {@link #version}. */
  String savedText();

  /** A text comes into the editor as if it had been typed; undo brings the one before back. */
  void putIn(String text);
}
