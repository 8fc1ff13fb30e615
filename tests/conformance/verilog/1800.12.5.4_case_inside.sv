// IEEE 1800-2017 clause 12.5.4: values, ranges, and digits that do not matter
module t;
  function automatic int kind(logic [3:0] a);
    case (a) inside
      0: return 0;
      [1:3], 9: return 1;
      4'b11??: return 2;
      default: return 3;
    endcase
  endfunction
  initial begin
    for (int i = 0; i < 16; i++) $write("%0d", kind(i));
    $display("");
  end
endmodule
//> 0111333331332222
