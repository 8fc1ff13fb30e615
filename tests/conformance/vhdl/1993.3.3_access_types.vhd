-- IEEE 1076-1993 clause 3.3: new makes an object, .all is the object
entity t is end;
architecture a of t is
begin
  process
    type cell;
    type link is access cell;
    type cell is record
      value : integer;
      rest : link;
    end record;
    variable head : link;
  begin
    head := new cell'(1, null);
    head := new cell'(2, head);
    report integer'image(head.value) & integer'image(head.rest.all.value) & boolean'image(head.rest.rest = null);
    wait;
  end process;
end;
--> note: 21true
