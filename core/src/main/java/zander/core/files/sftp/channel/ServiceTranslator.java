package zander.core.files.sftp.channel;

import java.io.IOException;

/**
 * Stands for the file service of a server that has none: says what is to be written to the server
 * for each message, and makes the answers of what comes back.
 */
public interface ServiceTranslator {
  /** Offered by a service that is none: it keeps few files open, and names none of them. */
  String BY_SCRIPTS = "by-scripts";

  /** Where answers go. */
  interface Answers {
    /** Takes a message, from its type on. */
    void message(byte[] message);

    /** The server cannot stand in for a file service. */
    void refused(String why);
  }

  /**
   * What is to be written for a message, from its type on. In the order they go out.
   *
   * @throws IOException when it is none
   */
  byte[] ask(byte[] message, int length) throws IOException;

  /**
   * Takes what the server wrote.
   *
   * @throws IOException when it is no answer
   */
  void heard(byte[] data, int offset, int length) throws IOException;
}
