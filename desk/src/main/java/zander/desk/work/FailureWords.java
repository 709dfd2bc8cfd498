package zander.desk.work;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.NoSuchFileException;
import java.util.concurrent.CancellationException;
import zander.core.change.effect.GuardRefused;
import zander.core.change.save.NotPutBack;
import zander.core.change.save.SaveFailure;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.report.ConnectFailure;
import zander.core.edit.NotTextException;
import zander.core.edit.UnencodableTextException;
import zander.core.files.RemoteFailure;
import zander.core.seal.StillSealed;

/** The one place that turns failures into words: what failed, where things stand, what to do. */
public final class FailureWords {
  private FailureWords() {}

  public static Message of(Throwable failure) {
    if (failure instanceof ConnectFailure connect) {
      return SignInWords.of(connect);
    }
    if (failure instanceof SaveFailure save) {
      return SaveWords.of(save);
    }
    if (failure instanceof NotPutBack stands) {
      return SaveWords.of(stands);
    }
    if (failure instanceof GuardRefused refused) {
      return SaveWords.of(refused);
    }
    if (failure instanceof RemoteFailure remote) {
      return remote(remote);
    }
    if (failure instanceof ActFailure act) {
      return act(act);
    }
    if (failure instanceof StillSealed sealed) {
      return sealed(sealed);
    }
    if (failure instanceof NotTextException text) {
      return new Message(
          "This is not a text that can be edited here",
          text.getMessage() + ", at position " + text.at() + ". Nothing was changed.");
    }
    if (failure instanceof UnencodableTextException text) {
      return new Message(
          "The encoding of this file, "
              + text.charset().name()
              + ", has no \""
              + text.character()
              + "\"",
          "It is in line "
              + text.line()
              + ". The file on the server is as it was. Save it as UTF-8, or remove the"
              + " character.");
    }
    if (failure instanceof AccessDeniedException denied) {
      return new Message(
          "No permission on this computer", denied.getFile() + ". Nothing was changed.");
    }
    if (failure instanceof NoSuchFileException missing) {
      return new Message("It is not on this computer any more", missing.getFile());
    }
    if (failure instanceof IllegalArgumentException wrong) {
      return new Message("That cannot be read", wrong.getMessage());
    }
    if (failure instanceof CancellationException) {
      return new Message("It was stopped", "");
    }
    if (failure instanceof OutOfMemoryError) {
      return new Message(
          "That is more than fits into the memory",
          "It was given up, and what is on the server is as it was. Close what is not needed, or do"
              + " it in smaller parts.");
    }
    String text = failure.getMessage() == null ? failure.toString() : failure.getMessage();
    return new Message(
        failure instanceof IOException ? "That failed" : "Something went wrong", text);
  }

  private static Message act(ActFailure failure) {
    String said =
        failure.said().isBlank() ? "" : " The server said: " + withStop(failure.said().strip());
    String nothing = "Nothing was done as another account.";
    return switch (failure.reason()) {
      case NOT_ALLOWED ->
          new Message(
              "The server does not let you act as another account",
              nothing
                  + said
                  + (failure.allowed().isEmpty()
                      ? ""
                      : " You may run: " + String.join(", ", failure.allowed()) + ".")
                  + " An administrator can allow it"
                  + (failure.line().isEmpty()
                      ? "."
                      : " in /etc/sudoers with the line: " + failure.line()));
      case WRONG_PASSWORD ->
          new Message("The password was wrong", nothing + " It was not sent again." + said);
      case GIVEN_UP -> new Message("No password was given", nothing);
      case WANTS_TERMINAL ->
          new Message(
              "The server wants a terminal for this, and gives you none",
              nothing
                  + said
                  + " Have the rule changed for your account: for sudo that is requiretty; doas"
                  + " needs a rule with nopass.");
      case NO_PROGRAM ->
          new Message(
              "There is no sudo, doas or su that you could use on this server", nothing + said);
      case NO_FILE_SERVICE ->
          new Message(
              "There is nothing on this server that serves files to another account",
              nothing
                  + said
                  + " OpenSSH's sftp-server was not found, and the tools that could do it by"
                  + " scripts are not all there. Install one or the other.");
      case ENDED -> new Message("You do not act as another account any more", "Nothing was done.");
      case FAILED -> new Message("The server did not begin it", nothing + said);
    };
  }

  private static Message sealed(StillSealed failure) {
    return switch (failure.reason()) {
      case VAULT_CLOSED ->
          new Message(
              "It is sealed, and the vault is closed",
              "Nothing was changed. Open the vault, then do it again.");
      case KEY_GONE ->
          new Message(
              "It cannot be opened any more",
              "It was sealed on this computer with a key that is gone: another vault had it."
                  + " Nothing was changed.");
      case DAMAGED ->
          new Message(
              "What is kept on this computer of it was damaged or changed",
              "It was not used, and nothing was changed.");
    };
  }

  private static Message remote(RemoteFailure failure) {
    String path = failure.path() == null ? "" : failure.path().text();
    String what = "Could not " + failure.step() + (path.isEmpty() ? "" : " " + path);
    String unchanged = "Nothing was changed.";
    return switch (failure.reason()) {
      case NO_SUCH_FILE ->
          new Message(
              what + ": it is not there",
              "It may have been moved or removed, or a link leads nowhere. " + unchanged);
      case PERMISSION_DENIED ->
          new Message(
              what + ": no permission",
              "Your account may not do this here. Nothing was changed. Look at the rights of the"
                  + " file and of the folders above it.");
      case ALREADY_EXISTS -> new Message(what + ": the name is taken", unchanged);
      case NO_SPACE ->
          new Message(
              what + ": the server's disk is full",
              quoted(failure)
                  + "What was there before is still there, whole. Make room, then try"
                  + " again.");
      case NO_INODES ->
          new Message(
              what + ": the server's disk takes no more files",
              "It has space left, but its file table (inodes) is full. What was there before is"
                  + " still there, whole. Remove files that nobody needs, then try again.");
      case QUOTA ->
          new Message(
              what + ": your disk quota on the server is used up",
              quoted(failure)
                  + "What was there before is still there, whole. Remove something of"
                  + " yours, or ask for a larger quota.");
      case READ_ONLY ->
          new Message(
              what + ": the file system is mounted read-only",
              unchanged
                  + " Whoever runs the server can mount it writable again; after a disk fault"
                  + " it may have become read-only by itself.");
      case LINKS_FOLLOWED ->
          new Message(
              what + ": this server looks through links",
              firstUpper(failure.said())
                  + ". What is done to the link would be done to what it leads to, so Zander does"
                  + " not do it here. Nothing was changed. Use a shell on the server.");
      case LEADS_ELSEWHERE ->
          new Message(
              what + ": another account can lead you elsewhere there",
              leadsElsewhere(failure)
                  + " Nothing was changed. Go to the place that you mean, and do it there.");
      case NO_SHELL ->
          new Message(
              what + ": this account has no shell",
              quoted(failure)
                  + "Files can be listed, edited and transferred all the same; what"
                  + " needs a command on the server cannot be done. "
                  + unchanged);
      case NOT_SUPPORTED ->
          new Message(
              what + ": the server cannot do that",
              failure.said().isBlank() ? unchanged : firstUpper(failure.said()) + ". " + unchanged);
      case LINE_LOST ->
          new Message(
              what + ": the connection broke",
              "What the server did with the last request is not known. Connect again and look.");
      case NOT_A_FOLDER -> new Message(what + ": it is not a folder", unchanged);
      case BAD_ANSWER ->
          new Message(what + ": the server answered against the protocol", quoted(failure).strip());
      case TOO_LARGE ->
          new Message(what + ": it is too large", firstUpper(failure.said()) + ". " + unchanged);
      case FAILED -> new Message(what, failed(failure.said()));
    };
  }

  private static String leadsElsewhere(RemoteFailure failure) {
    String path = failure.path() == null ? "The path" : failure.path().text();
    return path
        + " does not lead where it says: somebody who may write there has put a link on the way. It leads to "
        + failure.said()
        + ".";
  }

  /** What the server said, as a sentence with a space after it; nothing when it said nothing. */
  private static String quoted(RemoteFailure failure) {
    String said = failure.said() == null ? "" : failure.said().strip();
    return said.isEmpty() ? "" : "The server said: " + withStop(said) + " ";
  }

  private static String withStop(String said) {
    return said.endsWith(".") ? said : said + ".";
  }

  /** Version 3 of SFTP has one word for most failures, which helps nobody. */
  private static String failed(String said) {
    boolean mute = said == null || said.isBlank() || said.strip().equalsIgnoreCase("failure");
    return mute
        ? "The server gave no reason. A quota may be used up, the entry may be in use, a mount"
            + " point or on another file system, or the name is not possible there."
        : "The server said: " + said.strip();
  }

  private static String firstUpper(String words) {
    return words.isEmpty() ? words : Character.toUpperCase(words.charAt(0)) + words.substring(1);
  }
}
