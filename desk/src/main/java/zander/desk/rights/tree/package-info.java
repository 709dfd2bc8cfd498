/** The rights of all that is in folders: asked for, looked at, set and put back. */
package zander.desk.rights.tree;
