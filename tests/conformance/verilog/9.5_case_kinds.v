// IEEE 1364-2005 clause 9.5: case, casez and casex with x and z on either side
module t;
  reg [3:0] s;
  task show; begin
    case (s) 4'b00xx: $write("A"); 4'b1zzz: $write("B"); 4'b0001: $write("C"); default: $write("-"); endcase
    casez (s) 4'b1???: $write("A"); 4'b00xx: $write("B"); 4'b0?01: $write("C"); default: $write("-"); endcase
    casex (s) 4'b1xxx: $write("A"); 4'b00?1: $write("B"); 4'b0100: $write("C"); default: $write("-"); endcase
    case (1'b1) s[3]: $display(" three"); s[2]: $display(" two"); default: $display(" none"); endcase
  end endtask
  initial begin
    s = 4'b0001; show; s = 4'b00xx; show; s = 4'b1zzz; show; s = 4'b0101; show; s = 4'b01zz; show; s = 4'bx000; show; s = 4'b1x1x; show;
    case (2'b10) 2'b0, 2'b11: $display("no"); 2'b10, 2'b01: $display("yes"); endcase
    case (8'sd5) 4'sd5: $display("five"); default: $display("other"); endcase
    case (-1) 4'hf: $display("unsigned"); default: $display("32 bits"); endcase
  end
endmodule
//> CCB none
//> ABB none
//> BAA three
//> -C- two
//> -CC two
//> --A none
//> -AA three
//> yes
//> five
//> 32 bits
