-- IEEE 1076-1993 clause 3.3: when it is followed
entity t is end;
architecture a of t is
begin
  process
    type link is access integer;
    variable p : link;
  begin
    report integer'image(p.all); --! null
    wait;
  end process;
end;
