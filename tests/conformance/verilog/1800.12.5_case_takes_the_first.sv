// IEEE 1800-2017 clause 12.5: the first item that matches is taken, and unknown digits match themselves
module t;
  logic [1:0] s;
  function automatic string f(logic [1:0] v);
    case (v)
      2'b0x: return "0x";
      2'b00, 2'b01: return "0";
      2'bxx: return "xx";
      default: return "other";
    endcase
  endfunction
  initial begin
    $display("%s %s %s %s %s", f(0), f(2'b0x), f(2'bxx), f(2'bx0), f(2));
  end
endmodule
//> 0 0x xx other other
