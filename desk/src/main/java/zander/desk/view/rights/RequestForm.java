package zander.desk.view.rights;

/** What is asked of rights, to be filled in. */
interface RequestForm {
  void takeFocus();
}
