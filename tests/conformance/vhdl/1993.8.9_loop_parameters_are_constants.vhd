-- IEEE 1076-1993 clause 8.9: inside of their loop
entity t is end;
architecture a of t is
begin
  process begin
    for i in 0 to 3 loop
      i := i + 1; --! constant
    end loop;
    wait;
  end process;
end;
