package zander.core.files.sftp.channel;

import java.io.IOException;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/** How a file service is begun that is not the account's own: by a command. */
public interface ServiceStart {
  /**
   * For the account's login shell; asked for once, before it is sent.
   *
   * @param closing closes the channel
   * @throws IOException when it may not be begun
   */
  byte[] command(Runnable closing) throws IOException;

  /** Whether the command is to be given a terminal, where all that it says comes one way. */
  default boolean wantsTerminal() {
    return false;
  }

  /**
   * What stands for the service where the command is none.
   *
   * @return {@code null} where it is one
   */
  default @Nullable ServiceTranslator translator(ServiceTranslator.Answers answers) {
    return null;
  }

  /**
   * Where what the command writes on its error stream goes first; in a terminal, all of it.
   *
   * @param rest takes what is the service's
   */
  OutputStream errors(OutputStream rest);

  /**
   * Waits until the service itself runs, and answers what is asked before. Nothing may be written
   * to it by then: it would be taken for an answer.
   *
   * @param in what the command reads
   * @throws IOException when it does not get that far
   */
  void await(OutputStream in) throws IOException;

  /** The channel has closed: nobody is to wait any longer. */
  void ended();
}
