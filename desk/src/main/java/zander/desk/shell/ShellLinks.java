package zander.desk.shell;

import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.work.VisibleText;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.term.TextLink;
import zander.desk.words.Words;
import zander.desk.work.Browser;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** Goes to what is pressed in a shell: a file at its line, a folder, or an address. */
final class ShellLinks {
  private static final Words WORDS = Words.of(ShellLinks.class);

  private final OpenDesk desk;
  private final Sheet shell;

  ShellLinks(OpenDesk desk, Sheet shell) {
    this.desk = desk;
    this.shell = shell;
  }

  /**
   * @param folder what a relative path starts from
   */
  void follow(TextLink link, RemotePath folder) {
    if (link.kind() == TextLink.Kind.FILE) {
      RemotePath path = resolve(link.target(), folder);
      desk.background()
          .run(
              () -> desk.files().look(path),
              found -> open(path, found, link.line()),
              failure -> shell.tellFailure(FailureWords.of(failure)));
    } else if (link.target().startsWith("http://") || link.target().startsWith("https://")) {
      askToBrowse(link.target());
    } else {
      shell.tell(
          new Message(
              WORDS.say("thisLinkIsNot", VisibleText.of(link.target())),
              WORDS.say("zanderOpensLinksThat")));
    }
  }

  private void open(RemotePath path, RemoteAttributes found, int line) {
    if (found.isFolder()) {
      desk.goTo(path);
    } else {
      desk.openFile(path, line);
    }
  }

  private RemotePath resolve(String written, RemotePath folder) {
    if (written.equals("~")) {
      return desk.home();
    }
    return written.startsWith("~/")
        ? desk.home().resolve(written.substring(2))
        : folder.resolve(written);
  }

  /** The text of a link may say another address than it has: this one is shown. */
  private void askToBrowse(String address) {
    shell.ask(
        Question.notice(
            new Message(WORDS.say("openThisPageIn"), VisibleText.of(address)),
            false,
            new Question.Choice(
                WORDS.say("openIt"),
                ticked -> {
                  shell.dismissQuestion();
                  browse(address);
                }),
            new Question.Choice(WORDS.say("cancel"), ticked -> shell.dismissQuestion())));
  }

  private void browse(String address) {
    desk.background()
        .run(
            () -> Browser.open(address),
            opened -> {
              if (!opened) {
                shell.tellFailure(
                    new Message(
                        WORDS.say("noProgramOnThis"),
                        WORDS.say("xdgOpenIsWhat", VisibleText.of(address))));
              }
            },
            failure -> shell.tellFailure(FailureWords.of(failure)));
  }
}
