/** Rights that a folder keeps, as they are written, learnt, kept and looked at. */
package zander.desk.rights.kept;
