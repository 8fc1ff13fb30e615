-- IEEE 1076-1993 clause 2.1.1: an expression takes no value
entity t is end;
architecture a of t is
  procedure put(n : out integer) is
  begin
    n := 1;
  end;
begin
  process begin
    put(3); --! not-variable
    wait;
  end process;
end;
