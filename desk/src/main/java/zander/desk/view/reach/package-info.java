/** The page for reaching servers: the book, sign-ins as steps, keys, and the vault. */
package zander.desk.view.reach;
