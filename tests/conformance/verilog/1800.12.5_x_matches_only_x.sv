// IEEE 1800-2017 clause 12.5: a plain case compares digit by digit, unknown ones too
module t;
  logic [1:0] a;
  task show;
    case (a)
      2'b0x: $display("0x");
      2'bxx: $display("xx");
      2'bz1: $display("z1");
      default: $display("other");
    endcase
  endtask
  initial begin
    show;
    a = 2'b0x; show;
    a = 2'bz1; show;
    a = 2'b01; show;
  end
endmodule
//> xx
//> 0x
//> z1
//> other
