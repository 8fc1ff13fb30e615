-- IEEE 1076-1993 clause 8.6: before named ones
entity t is end;
architecture a of t is
  procedure p(a : integer; b : integer) is
  begin
    null;
  end;
begin
  process begin
    p(a => 1, 2); --! no-call
    wait;
  end process;
end;
