-- IEEE 1076-1993 clause 8.6: more than there are parameters
entity t is end;
architecture a of t is
  procedure p(a : integer) is
  begin
    null;
  end;
begin
  process begin
    p(1, 2); --! no-call
    wait;
  end process;
end;
