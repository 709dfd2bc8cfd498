/** A text as it is in the editor: what is changed in it, found in it, and gone to. */
package zander.desk.edit;
