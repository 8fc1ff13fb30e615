-- IEEE 1076-1993 clauses 3.3 and 7.3.6: access types, allocators, lists
entity access_values is end entity;
architecture test of access_values is
begin
  process
    type node;
    type link is access node;
    type node is record
      value : integer;
      next_one : link;
    end record;
    type text_ptr is access string;
    variable head, p : link;
    variable t : text_ptr;
    variable total : integer := 0;
  begin
    for i in 1 to 4 loop
      p := new node'(i * i, head);
      head := p;
    end loop;
    p := head;
    while p /= null loop
      total := total + p.value;
      report integer'image(p.all.value);
      p := p.next_one;
    end loop;
    head.value := 100;
    head.next_one.value := head.value + 1;
    report integer'image(total) & " " & integer'image(head.next_one.value);
    t := new string'("hello");
    t(1) := 'J';
    report t.all & " " & integer'image(t'length) & " " & t(2 to 3);
    t := new string(1 to 2);
    t.all := "ok";
    report t.all;
    deallocate(t);
    report boolean'image(t = null);
    wait;
  end process;
end architecture;
--> note: 16
--> note: 9
--> note: 4
--> note: 1
--> note: 30 101
--> note: Jello 5 el
--> note: ok
--> note: true
